import Joi from 'joi'

export const OPEN_BODY = Joi.object<{ open: boolean }>({ open: Joi.boolean().strict().required() })
export const NAME_BODY = Joi.object<{ name: string }>({ name: Joi.string().trim().min(1).max(60).required() })
export const NOTHING = Joi.object({})

const moment = Joi.string().isoDate()
/** Whether the door is open and at which addresses, the code that is given out, until when it is shut, and who is let in. */
export const DOOR = Joi.object({
  open: Joi.boolean().required(),
  addresses: Joi.array().items(Joi.string()).required(),
  code: Joi.object({ digits: Joi.string().required(), until: moment.required() }).allow(null).required(),
  shutUntil: moment.allow(null).required(),
  devices: Joi.array()
    .items(
      Joi.object({
        id: Joi.string().required(),
        name: Joi.string().required(),
        madeAt: moment.required(),
        usedAt: moment.required(),
      }),
    )
    .required(),
})
